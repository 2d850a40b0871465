"""The fish: appetite, choice of temperature, welfare, and the belief where they feed."""
