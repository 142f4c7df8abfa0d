"""The house: the larder, and since when a system's meals are counted."""

import sqlalchemy as sa
from alembic import op

revision = "0012"
down_revision = "0011"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "house",
        sa.Column("key", sa.String(), primary_key=True),
        sa.Column("document", sa.Text(), nullable=False),
    )


def downgrade() -> None:
    op.drop_table("house")
