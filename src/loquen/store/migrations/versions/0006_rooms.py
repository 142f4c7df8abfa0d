"""Rooms: documents with revisions as systems are, told apart by what they are of; and the runs of their changers."""

import sqlalchemy as sa
from alembic import op

revision = "0006"
down_revision = "0005"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column("system", sa.Column("root", sa.String(), nullable=False, server_default="system"))
    op.create_table(
        "run",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("room_id", sa.Integer(), sa.ForeignKey("system.id"), nullable=False),
        sa.Column("begun", sa.String(), nullable=False),
        sa.Column("number", sa.Integer(), nullable=False),
        sa.Column("zone", sa.Integer(), nullable=False),
        sa.Column("at", sa.DateTime(), nullable=False),
        sa.Column("clock_min", sa.Float(), nullable=False),
        sa.Column("minutes", sa.Float(), nullable=False),
        sa.Column("planned_l", sa.Float(), nullable=False),
        sa.Column("metered_l", sa.Float(), nullable=False),
        sa.Column("mixed_c", sa.Float(), nullable=False),
        sa.Column("ended_by", sa.String(), nullable=False),
        sa.UniqueConstraint("room_id", "begun", "number"),
    )
    op.create_index("ix_run_room_id", "run", ["room_id"])


def downgrade() -> None:
    op.drop_table("run")
    op.execute("DELETE FROM revision WHERE system_id IN (SELECT id FROM system WHERE root <> 'system')")
    op.execute("DELETE FROM system WHERE root <> 'system'")
    op.drop_column("system", "root")
