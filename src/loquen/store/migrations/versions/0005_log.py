"""The log: entries of a system, each with the revisions it went through."""

import sqlalchemy as sa
from alembic import op

revision = "0005"
down_revision = "0004"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "entry",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("system_id", sa.Integer(), sa.ForeignKey("system.id"), nullable=False),
        sa.Column("at", sa.DateTime(), nullable=False),
        sa.Column("revision", sa.Integer(), nullable=False),
        sa.Column("document", sa.Text(), nullable=False),
        sa.Column("deleted", sa.DateTime(), nullable=True),
    )
    op.create_index("ix_entry_system_at", "entry", ["system_id", "at"])
    op.create_table(
        "entry_revision",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("entry_id", sa.Integer(), sa.ForeignKey("entry.id"), nullable=False),
        sa.Column("number", sa.Integer(), nullable=False),
        sa.Column("saved", sa.DateTime(), nullable=False),
        sa.Column("at", sa.DateTime(), nullable=False),
        sa.Column("document", sa.Text(), nullable=False),
        sa.UniqueConstraint("entry_id", "number"),
    )
    op.create_index("ix_entry_revision_entry_id", "entry_revision", ["entry_id"])


def downgrade() -> None:
    op.drop_table("entry_revision")
    op.drop_table("entry")
