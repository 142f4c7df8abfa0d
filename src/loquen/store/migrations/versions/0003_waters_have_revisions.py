"""Waters count their changes, so that a stale one is refused; the file says whose it is."""

import sqlalchemy as sa
from alembic import op

from loquen.store.file.files import APPLICATION_ID

revision = "0003"
down_revision = "0002"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column("water", sa.Column("revision", sa.Integer(), nullable=False, server_default="1"))
    op.execute(f"PRAGMA application_id = {APPLICATION_ID}")


def downgrade() -> None:
    op.drop_column("water", "revision")
