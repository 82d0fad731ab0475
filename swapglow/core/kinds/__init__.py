"""What any kind says of itself, be it of a supply or of a driver: what it asks, what is worth reading."""
