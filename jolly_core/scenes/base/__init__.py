"""What every picture is made of: primitives, paints, letters, graphics, frames and title blocks."""
