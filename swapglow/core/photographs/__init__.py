"""What photographs can measure: two lamps beside each other in one frame, and pulses drawn out to a streak."""
