"""The round: what is set otherwise, what was ticked, who does it, and in which order."""

import sqlalchemy as sa
from alembic import op

revision = "0009"
down_revision = "0008"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "duty",
        sa.Column("system_id", sa.Integer(), sa.ForeignKey("system.id"), primary_key=True),
        sa.Column("key", sa.String(), primary_key=True),
        sa.Column("document", sa.Text(), nullable=False),
    )
    op.create_table(
        "tick",
        sa.Column("id", sa.String(), primary_key=True),
        sa.Column("system_id", sa.Integer(), sa.ForeignKey("system.id"), nullable=False),
        sa.Column("duty", sa.String(), nullable=False),
        sa.Column("due", sa.String(), nullable=False),
        sa.Column("at", sa.DateTime(), nullable=False),
        sa.Column("day", sa.String(), nullable=False),
        sa.Column("done_by", sa.String(), nullable=False),
        sa.Column("skipped", sa.String(), nullable=False),
        sa.Column("entry_id", sa.Integer(), nullable=True),
        sa.UniqueConstraint("system_id", "duty", "due"),
    )
    op.create_index("ix_tick_system_id", "tick", ["system_id"])
    op.create_table(
        "helper",
        sa.Column("name", sa.String(), primary_key=True),
        sa.Column("place", sa.Integer(), nullable=False),
        sa.Column("weekdays", sa.String(), nullable=False),
        sa.Column("hour", sa.Float(), nullable=False),
    )
    op.create_table(
        "walk",
        sa.Column("system_id", sa.Integer(), sa.ForeignKey("system.id"), primary_key=True),
        sa.Column("place", sa.Integer(), nullable=False),
    )
    op.create_table(
        "stock",
        sa.Column("key", sa.String(), primary_key=True),
        sa.Column("amount", sa.Float(), nullable=False),
        sa.Column("counted", sa.String(), nullable=False),
        sa.Column("lead_d", sa.Integer(), nullable=False),
    )


def downgrade() -> None:
    for name in ("stock", "walk", "helper", "tick", "duty"):
        op.drop_table(name)
