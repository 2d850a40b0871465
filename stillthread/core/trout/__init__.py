"""The fish: appetite, choice of temperature, what is open to a species, welfare; what it notices, and what own takes teach."""
