"""What a plan is tried with: edits, proposals, forecasts, the build, the library it draws on. Nothing but the library is saved here."""
