"""The shipped tables: species, equipment, materials, constants, sources. Each row says its source."""
