"""How a plan looks: pictures as data, and the one painter that screen, print and SVG share."""
