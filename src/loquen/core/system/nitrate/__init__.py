"""Nitrate of one system through time: from its plan and its log to a forecast, levers and verdicts."""
