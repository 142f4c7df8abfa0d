"""The cycle of one system: from its plan and its log to a forecast, a calendar and an answer."""
