"""Fine Gap: the bench sheet that thinks, for overhauling rotary positive displacement pumps."""
