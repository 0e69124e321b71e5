"""The project model and every trade rule of Jolly Spool, in plain Python."""

import os

# What is worked out here is small: several threads of linear algebra only wait for each other, ten times as long.
os.environ.setdefault("OPENBLAS_NUM_THREADS", "1")
