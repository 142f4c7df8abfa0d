"""Systems and the revisions of their plans."""

import sqlalchemy as sa
from alembic import op

revision = "0001"
down_revision = None
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "system",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("created", sa.DateTime(), nullable=False),
        sa.Column("current", sa.Integer(), nullable=False),
        sa.Column("deleted", sa.DateTime(), nullable=True),
    )
    op.create_table(
        "revision",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("system_id", sa.Integer(), sa.ForeignKey("system.id"), nullable=False, index=True),
        sa.Column("number", sa.Integer(), nullable=False),
        sa.Column("previous", sa.Integer(), nullable=True),
        sa.Column("saved", sa.DateTime(), nullable=False),
        sa.Column("plan", sa.JSON(), nullable=False),
        sa.UniqueConstraint("system_id", "number"),
    )


def downgrade() -> None:
    op.drop_table("revision")
    op.drop_table("system")
