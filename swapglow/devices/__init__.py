"""Phones and other devices beside the bench: who may come in, by which door, and what they may do."""
