"""One table of what happened: entries of logs, what the register says, ticks and runs, with what they were before."""

import json

import sqlalchemy as sa
from alembic import op

revision = "0014"
down_revision = "0013"
branch_labels = None
depends_on = None

KIND = "COALESCE(CASE WHEN json_valid({0}) THEN json_extract({0}, '$.kind') END, '')"
IS_TICK = "duty <> '' AND deleted IS NULL"
BIRTH_OF_DAYS = "1999-12-31 23:59:59.999999"
"""What a day is kept as that can not be read."""

ENTRIES = f"""
INSERT INTO event (id, system_id, kind, at, written, revision, document, deleted)
SELECT e.id, e.system_id, {KIND.format("e.document")}, e.at,
       COALESCE((SELECT min(r.saved) FROM entry_revision r WHERE r.entry_id = e.id), e.at),
       e.revision, e.document, e.deleted
FROM entry e
"""
WAS = """
INSERT INTO event_revision (event_id, number, saved, at, document)
SELECT entry_id, number, saved, at, document FROM entry_revision ORDER BY id
"""
TICKED = """
UPDATE event SET duty = t.duty, due = t.due, day = t.day, done_by = t.done_by, once = t.id
FROM tick t WHERE t.entry_id = event.id AND event.deleted IS NULL AND t.skipped = ''
"""
TICKS = """
INSERT INTO event (system_id, kind, at, duty, due, day, done_by, once, written, document)
SELECT t.system_id, CASE WHEN t.skipped = '' THEN 'seen_to' ELSE 'skipped' END, t.at, t.duty, t.due, t.day, t.done_by, t.id,
       t.at,
       CASE WHEN t.skipped = '' THEN json_object('kind', 'seen_to', 'version', 1, 'note', '')
            ELSE json_object('kind', 'skipped', 'version', 1, 'reason', t.skipped) END
FROM tick t WHERE t.id NOT IN (SELECT once FROM event WHERE once IS NOT NULL) ORDER BY t.at, t.id
"""
LIVES = f"""
INSERT INTO event (id, system_id, to_id, resident_id, kind, at, written, document, deleted)
SELECT :after + h.id,
       (SELECT s.id FROM system s WHERE s.id = CASE WHEN json_valid(h.document) THEN json_extract(h.document, '$.system') END),
       CASE WHEN json_valid(h.document) AND json_extract(h.document, '$.kind') = 'move'
            THEN json_extract(h.document, '$.to') END,
       h.resident_id, {KIND.format("h.document")},
       COALESCE(CASE WHEN json_valid(h.document) THEN date(json_extract(h.document, '$.day')) || ' 12:00:00.000000' END,
                '{BIRTH_OF_DAYS}'),
       h.written, h.document, h.deleted
FROM happened h ORDER BY h.id
"""
TICK_ASIDE = """
INSERT INTO event (system_id, kind, at, duty, due, day, done_by, written, deleted, document)
VALUES (:system_id, CASE WHEN :skipped = '' THEN 'seen_to' ELSE 'skipped' END, :at, :duty, :due, :day, :done_by, :at, :at,
        CASE WHEN :skipped = '' THEN json_object('kind', 'seen_to', 'version', 1, 'note', '')
             ELSE json_object('kind', 'skipped', 'version', 1, 'reason', :skipped) END)
"""
RUNS = """
INSERT INTO event (system_id, kind, at, once, written, document)
SELECT room_id, 'pulsed', at, 'run ' || room_id || ' ' || begun || ' ' || number, at,
       json_object('kind', 'pulsed', 'version', 1, 'begun', begun, 'number', number, 'zone', zone, 'clock_min', clock_min,
                   'minutes', minutes, 'planned_l', planned_l, 'metered_l', metered_l, 'mixed_c', mixed_c,
                   'ended_by', ended_by)
FROM run ORDER BY id
"""
FIRST = """
INSERT INTO event_revision (event_id, number, saved, at, document)
SELECT id, revision, written, at, document FROM event e
WHERE NOT EXISTS (SELECT 1 FROM event_revision r WHERE r.event_id = e.id)
"""


def upgrade() -> None:
    op.create_table(
        "event",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("system_id", sa.Integer(), sa.ForeignKey("system.id")),
        sa.Column("to_id", sa.Integer()),
        sa.Column("resident_id", sa.Integer(), sa.ForeignKey("resident.id")),
        sa.Column("kind", sa.String(), nullable=False),
        sa.Column("at", sa.String(), nullable=False),
        sa.Column("duty", sa.String(), nullable=False, server_default=""),
        sa.Column("due", sa.String(), nullable=False, server_default=""),
        sa.Column("day", sa.String(), nullable=False, server_default=""),
        sa.Column("done_by", sa.String(), nullable=False, server_default=""),
        sa.Column("once", sa.String()),
        sa.Column("written", sa.String(), nullable=False),
        sa.Column("revision", sa.Integer(), nullable=False, server_default="1"),
        sa.Column("document", sa.Text(), nullable=False),
        sa.Column("deleted", sa.String()),
    )
    op.create_table(
        "event_revision",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("event_id", sa.Integer(), sa.ForeignKey("event.id"), nullable=False),
        sa.Column("number", sa.Integer(), nullable=False),
        sa.Column("saved", sa.String(), nullable=False),
        sa.Column("at", sa.String(), nullable=False),
        sa.Column("document", sa.Text(), nullable=False),
        sa.UniqueConstraint("event_id", "number"),
    )
    connection = op.get_bind()
    op.execute(ENTRIES)
    op.execute(WAS)
    op.execute("CREATE UNIQUE INDEX ix_event_once ON event (once)")
    op.execute(TICKED)
    op.execute(TICKS)
    after = connection.execute(sa.text("SELECT COALESCE(max(id), 0) FROM event")).scalar_one()
    connection.execute(sa.text(LIVES), {"after": after})
    op.execute(RUNS)
    op.execute(FIRST)
    carry_set_aside(connection, after)
    op.execute("CREATE INDEX ix_event_revision_event_id ON event_revision (event_id)")
    op.execute("CREATE INDEX ix_event_system_at ON event (system_id, at)")
    op.execute("CREATE INDEX ix_event_to ON event (to_id) WHERE to_id IS NOT NULL")
    op.execute("CREATE INDEX ix_event_resident ON event (resident_id) WHERE resident_id IS NOT NULL")
    op.execute(f"CREATE UNIQUE INDEX ix_event_due ON event (system_id, duty, due) WHERE {IS_TICK}")
    op.execute(f"CREATE INDEX ix_event_tick ON event (system_id, duty, due, day, kind) WHERE {IS_TICK}")
    op.execute(f"CREATE INDEX ix_event_day ON event (day) WHERE {IS_TICK}")
    # What tells whether a log is as it was, of all systems at once, without looking at an event.
    op.execute("CREATE INDEX ix_event_stamp ON event (system_id, revision, deleted, at, length(document))")
    for table in ("entry_revision", "entry", "tick", "happened", "run"):
        op.drop_table(table)


def carry_set_aside(connection: sa.Connection, after: int) -> None:
    """What was set aside of the tables that go, under what it is called now."""
    rows = connection.execute(
        sa.text("SELECT id, kept_in, row FROM set_aside WHERE kept_in IN ('entry', 'happened', 'tick')")
    ).all()
    for number, kept_in, text in rows:
        row = json.loads(text)
        if kept_in == "happened":
            row["id"] += after
        elif kept_in == "tick":
            row = {**row, "id": connection.execute(sa.text(TICK_ASIDE), row).lastrowid}
        connection.execute(
            sa.text("UPDATE set_aside SET kept_in = 'event', row = :row WHERE id = :number"),
            {"row": json.dumps(row), "number": number},
        )


def downgrade() -> None:
    raise NotImplementedError("an older Loquen opens the copy that was made before")
