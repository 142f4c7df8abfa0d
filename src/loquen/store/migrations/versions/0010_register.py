"""The register: who lives where, and what happened to them."""

import sqlalchemy as sa
from alembic import op

revision = "0010"
down_revision = "0009"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "resident",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("document", sa.Text(), nullable=False),
        sa.Column("deleted", sa.DateTime(), nullable=True),
    )
    op.create_table(
        "happened",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("resident_id", sa.Integer(), sa.ForeignKey("resident.id"), nullable=False),
        sa.Column("written", sa.DateTime(), nullable=False),
        sa.Column("document", sa.Text(), nullable=False),
        sa.Column("deleted", sa.DateTime(), nullable=True),
    )
    op.create_index("ix_happened_resident_id", "happened", ["resident_id"])


def downgrade() -> None:
    op.drop_table("happened")
    op.drop_table("resident")
