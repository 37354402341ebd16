"""Files a maker keeps: projects, recovery, reports, drawings and worksheets."""
