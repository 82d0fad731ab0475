"""The parts on the bench: resistors, LEDs, filament lamps."""
