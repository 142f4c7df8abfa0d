"""Rows of the keeper's own library."""

import sqlalchemy as sa
from alembic import op

revision = "0004"
down_revision = "0003"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "own_row",
        sa.Column("kind", sa.String(), primary_key=True),
        sa.Column("key", sa.String(), primary_key=True),
        sa.Column("saved", sa.DateTime(), nullable=False),
        sa.Column("cells", sa.Text(), nullable=False),
    )


def downgrade() -> None:
    op.drop_table("own_row")
