"""Plans: computed from a reading and the kit, frozen when kept, and started from."""
