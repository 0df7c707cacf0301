"""What the pages of practice show: a simulated machine as it is played, and the two sheets laid on each other."""
