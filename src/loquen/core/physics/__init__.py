"""Textbook relations: plain numbers in, plain numbers out."""
