"""Who lives here: size, food and waste, company, and the schools of stocking."""
