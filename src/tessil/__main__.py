"""``python -m tessil``."""

import sys

from tessil.cli import main

sys.exit(main())
