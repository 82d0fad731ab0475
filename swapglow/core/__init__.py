"""The trade's computation: no interface, no framework, no files but its own data tables.

Read it top to bottom: quantities, parts, circuit, position, sight, findings, bench, assess.
"""
