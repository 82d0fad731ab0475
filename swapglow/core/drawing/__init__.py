"""Circuits drawn from their netlists: where each part stands, its symbol, and the drawing as SVG."""
