"""What the instruments draw: the report in sections, each with its shape and its builder."""
