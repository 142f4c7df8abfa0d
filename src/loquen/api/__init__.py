"""The web interface of the application: routes by resource, schemas with the conversions."""
