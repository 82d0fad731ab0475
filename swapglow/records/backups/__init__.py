"""Copies of the records that can be trusted: made while serving, looked at when made, and brought back whole."""
