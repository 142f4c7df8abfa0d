"""Rooms: documents with revisions as systems are, told apart by what they are of."""

import sqlalchemy as sa
from alembic import op

revision = "0006"
down_revision = "0005"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column("system", sa.Column("root", sa.String(), nullable=False, server_default="system"))


def downgrade() -> None:
    op.execute("DELETE FROM revision WHERE system_id IN (SELECT id FROM system WHERE root <> 'system')")
    op.execute("DELETE FROM system WHERE root <> 'system'")
    op.drop_column("system", "root")
