"""Water through time: nitrogen from its load to nitrate, hour by hour, alone or as an ensemble."""
