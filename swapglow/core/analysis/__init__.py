"""What a design comes to once it is solved: sizing, currents, cycles, states, the old lamp, heat."""
