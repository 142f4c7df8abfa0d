"""Keeping plans: tables, migrations, and one module per aggregate."""
