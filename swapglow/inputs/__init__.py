"""What can be typed of an item, declared once: from these models come document, API, records and answers."""
