"""Before the case is opened: is it worth doing, what is dangerous, which wire is which."""
