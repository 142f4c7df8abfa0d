"""Waters shared by all systems."""

import sqlalchemy as sa
from alembic import op

revision = "0002"
down_revision = "0001"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "water",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("saved", sa.DateTime(), nullable=False),
        sa.Column("document", sa.JSON(), nullable=False),
        sa.Column("deleted", sa.DateTime(), nullable=True),
    )


def downgrade() -> None:
    op.drop_table("water")
