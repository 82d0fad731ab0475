"""The circuit engine: netlist, operating point, steady state in time, SPICE text.

Reader's path: netlist (values), topology (what is refused), devices (equations of the nonlinear
parts), mna (nodal equations), solvers and elimination (solving them), newton, operating_point.
"""
