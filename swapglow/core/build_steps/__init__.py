"""What hands do: building a swap step by step, proving it warm, and the test before and after."""
