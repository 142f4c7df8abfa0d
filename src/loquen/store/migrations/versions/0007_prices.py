"""Prices: entered once for the house; those that stood in rooms are taken over, the newest room's first."""

import json

import sqlalchemy as sa
from alembic import op

revision = "0007"
down_revision = "0006"
branch_labels = None
depends_on = None


def upgrade() -> None:
    prices = op.create_table(
        "price",
        sa.Column("part", sa.String(), primary_key=True),
        sa.Column("money", sa.Float(), nullable=False),
    )
    rooms = op.get_bind().execute(
        sa.text(
            "SELECT revision.plan FROM revision JOIN system ON system.id = revision.system_id AND "
            "system.current = revision.number WHERE system.root = 'room' ORDER BY revision.saved"
        )
    )
    found: dict[str, float] = {}
    for (document,) in rooms:
        for row in json.loads(document).get("prices") or []:
            found[row["priced_part"]] = float(row["price_money"])
    op.bulk_insert(prices, [{"part": part, "money": money} for part, money in found.items()])


def downgrade() -> None:
    op.drop_table("price")
