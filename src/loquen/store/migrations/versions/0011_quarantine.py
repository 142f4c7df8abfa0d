"""Quarantine: which systems are tubs, who is to come, and courses of treatment."""

import sqlalchemy as sa
from alembic import op

revision = "0011"
down_revision = "0010"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "tub",
        sa.Column("system_id", sa.Integer(), sa.ForeignKey("system.id"), primary_key=True),
        sa.Column("document", sa.Text(), nullable=False),
    )
    for name in ("arriving", "course"):
        op.create_table(
            name,
            sa.Column("id", sa.Integer(), primary_key=True),
            sa.Column("document", sa.Text(), nullable=False),
            sa.Column("deleted", sa.DateTime(), nullable=True),
        )


def downgrade() -> None:
    for name in ("course", "arriving", "tub"):
        op.drop_table(name)
