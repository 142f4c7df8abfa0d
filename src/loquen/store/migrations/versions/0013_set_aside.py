"""Rows that were set aside because they could not be read, each whole; and an index by which logs are told apart."""

import sqlalchemy as sa
from alembic import op

revision = "0013"
down_revision = "0012"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "set_aside",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("kept_in", sa.String(), nullable=False),
        sa.Column("moment", sa.DateTime(), nullable=False),
        sa.Column("row", sa.Text(), nullable=False),
    )
    # What tells whether a log is as it was, of all systems at once, without looking at an entry.
    op.execute("CREATE INDEX ix_entry_stamp ON entry (system_id, revision, deleted, at, length(document))")


def downgrade() -> None:
    op.execute("DROP INDEX ix_entry_stamp")
    op.drop_table("set_aside")
