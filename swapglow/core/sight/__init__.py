"""What the eye is given: spectra, colour, lightness."""
