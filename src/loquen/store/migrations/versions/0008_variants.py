"""Variants: other ways that a system could be built, kept beside it."""

import sqlalchemy as sa
from alembic import op

revision = "0008"
down_revision = "0007"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "variant",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("system_id", sa.Integer(), sa.ForeignKey("system.id"), nullable=False),
        sa.Column("name", sa.String(), nullable=False),
        sa.Column("saved", sa.DateTime(), nullable=False),
        sa.Column("plan", sa.Text(), nullable=False),
    )
    op.create_index("ix_variant_system_id", "variant", ["system_id"])


def downgrade() -> None:
    op.drop_table("variant")
