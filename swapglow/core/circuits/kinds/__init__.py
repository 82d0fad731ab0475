"""One kind of circuit a module: what it asks, its circuit, its states and faults, its options and its report."""
