"""Where there is room: what lies over what, free places, texts that give way."""
