"""The circuit engine: netlist, operating point, steady state in time, SPICE text.

Reader's path: netlist (values), structure (what is refused), devices (equations of the curved
parts), system (nodal equations), linear and elimination (solving them), newton, operating_point.
"""
