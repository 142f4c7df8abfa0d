"""Small simulated stand-ins for devices and outside services; they ship and need no network."""
