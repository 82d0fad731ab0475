"""The most of each that is kept, on whatever way it comes in: by API, CSV or document."""

MOST_EQUIPMENT = 1000
MOST_RAILS = 100
MOST_POSITIONS = 1000
# Copies of a lamp that are made at once.
MOST_COPIES = 200
# Of one position, before the swap and after it each.
MOST_READINGS = 2000
MOST_PHOTOS = 200
# Parts in the drawer, the LEDs not counted.
MOST_PARTS = 5000
# LEDs of the bench's own.
MOST_LEDS = 500
# Further figures of a rail or a driver, whatever kinds it has been.
MOST_DETAILS = 20
# Lines of each list of the take-in sheet.
MOST_LINES = 300
MOST_ALTERNATIVES = 20
# Trials of one lamp.
MOST_TRIALS = 100
# Fitted LEDs of one item that are to be dimmed.
MOST_DIMS = 60
# Boards, strings, banks and power LEDs of one item.
MOST_FITTED = 60
# Steps of one lamp's build that somebody wrote at, and checks before and after.
MOST_STEPS = 100
MOST_CHECKS = 60
# Checks of the house, a line each.
MOST_HOUSE_CHECKS = 20
# What one item waits for.
MOST_WAITS = 20
