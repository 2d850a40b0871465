"""The kit: lines on the reels and flies in the box."""
