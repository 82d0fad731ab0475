"""What every kind of circuit is made with: blocks of parts, states solved in one batch, ratings, preferred values."""
