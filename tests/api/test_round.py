"""The round over the wire: what is due, ticks that count once, settings, helpers, holidays, calendars."""

import csv
import io
import itertools
from datetime import UTC, date, datetime, time, timedelta

import pytest
from icalendar import Calendar

TODAY = datetime.now(UTC).date()
SATURDAY = TODAY + timedelta(days=(5 - TODAY.weekday()) % 7 or 7)


def round_on(client, day=SATURDAY):
    return client.get("/api/round", params={"today": day.isoformat(), "zone": "Europe/Berlin"}).json()


def lines(client, system=1, day=SATURDAY):
    return {
        row["key"]: row
        for stop in round_on(client, day)["stops"]
        if stop["system_id"] == system
        for row in stop["lines"]
    }


def meal_of(client):
    """The key of Saturday's meal of the week's rota."""
    [key] = [key for key in lines(client) if key.startswith("feed.rota")]
    return key


def tick(duty="change", system=1, day=SATURDAY, name="tick-0001", **more):
    usual = {"id": name, "system_id": system, "duty": duty, "due": day.isoformat(), "day": day.isoformat()}
    return {**usual, "at": datetime.now(UTC).isoformat(), **more}


def keep(client, *ticks):
    return client.post("/api/round/ticks", json={"ticks": list(ticks)}).json()


def log_of(client, system=1):
    """What was written into a log; those of the register that it shows are told apart by their name."""
    return [row for row in client.get(f"/api/systems/{system}/log").json() if not row["who"]]


def test_a_saturday_wants_what_the_plans_say(client):
    found = lines(client)
    assert found["change"]["litres"] == pytest.approx(185.3, abs=0.05)
    assert found["change"]["late_d"] == 0
    assert "nitrate passes" in found["change"]["cost"]["text"]
    assert len(found[meal_of(client)]["steps"]) == 3
    assert "change" not in lines(client, day=SATURDAY - timedelta(days=1))
    assert round_on(client)["here"] == ["Noor", "Emil"]
    assert lines(client, 3)["read.nitrate"]["measure"] == "nitrate"


def test_a_tick_sent_twice_counts_once_and_writes_one_entry(client):
    before = len(log_of(client))
    assert keep(client, tick(done_by="Noor"), tick(done_by="Noor"))["kept"] == ["tick-0001"]
    again = keep(client, tick(done_by="Noor"), tick(name="tick-other", done_by="Emil"))
    assert again == {"kept": [], "there": ["tick-0001", "tick-other"], "refused": {}}
    entries = log_of(client)
    assert len(entries) == before + 1
    assert entries[-1]["entry"]["kind"] == "change"
    assert entries[-1]["entry"]["litres"] == pytest.approx(185.3)
    assert entries[-1]["entry"]["note"] == "by Noor"
    assert lines(client)["change"]["tick"] == "tick-0001"
    assert lines(client)["change"]["done_by"] == "Noor"


def test_a_tick_with_another_amount_writes_that(client):
    keep(client, tick(litres=120.0, note="hose leaked"), tick(meal_of(client), name="tick-0002", grams=1.0))
    changed, fed = log_of(client)[-2:]
    assert (changed["entry"]["litres"], changed["entry"]["note"]) == (120.0, "hose leaked")
    assert fed["entry"]["amount"] == 1.0


def test_a_tick_taken_back_takes_its_entry_out_and_is_due_again(client):
    before = len(log_of(client))
    keep(client, tick())
    assert client.delete("/api/round/ticks/tick-0001").status_code == 204
    assert len(log_of(client)) == before
    assert lines(client)["change"]["tick"] is None
    assert client.delete("/api/round/ticks/tick-0001").json()["code"] == "no_such_tick"


def test_a_skip_keeps_its_reason_writes_nothing_and_is_due_no_more(client):
    before = len(log_of(client))
    keep(client, tick(skipped="no time today"))
    assert len(log_of(client)) == before
    assert lines(client)["change"]["skipped"] == "no time today"
    assert "change" not in lines(client, day=SATURDAY + timedelta(days=1))


def test_a_late_duty_that_is_skipped_is_left_alone_until_its_time_comes_again(client):
    late = lines(client, 2, TODAY)["glass"]
    assert late["late_d"] == 2
    keep(client, {**tick("glass", 2, TODAY, skipped="looked: clean"), "due": late["due"]})
    assert lines(client, 2, TODAY)["glass"]["skipped"] == "looked: clean"
    assert "glass" not in lines(client, 2, TODAY + timedelta(days=6))
    assert lines(client, 2, TODAY + timedelta(days=7))["glass"]["late_d"] == 0


def test_what_the_log_says_needs_no_tick(client):
    now = datetime.now(UTC)
    # Just after midnight in London it is the same day in Berlin; late in the evening it is not.
    entry = {
        "at": datetime.combine(TODAY, time(), UTC).isoformat(),
        "entry": {"kind": "reading", "what": "kh", "value": "3"},
    }
    assert "read.kh" in lines(client, 5, TODAY)
    client.post("/api/systems/5/log", json={"now": now.isoformat(), "entries": [entry]})
    assert "read.kh" not in lines(client, 5, TODAY)


def test_a_missed_interval_is_late_and_counts_on_from_its_tick(client):
    # Wiped nine days ago in the demo, every seven.
    assert lines(client, 2, TODAY)["glass"]["late_d"] == 2
    keep(client, tick("glass", 2, TODAY))
    assert "glass" not in lines(client, 2, TODAY + timedelta(days=6))
    assert lines(client, 2, TODAY + timedelta(days=7))["glass"]["late_d"] == 0


def test_a_tick_from_a_clock_that_is_ahead_is_now_and_one_of_a_gone_system_is_told(client):
    ahead = (datetime.now(UTC) + timedelta(days=3)).isoformat()
    client.delete("/api/systems/2")
    answer = keep(client, tick(at=ahead), tick("glass", 2, TODAY, "tick-gone"))
    assert answer["kept"] == ["tick-0001"]
    assert list(answer["refused"]) == ["tick-gone"]
    assert datetime.fromisoformat(log_of(client)[-1]["at"]) <= datetime.now(UTC)


def care(client, system=1, key="glass"):
    rows = client.get(f"/api/systems/{system}/care", params={"today": TODAY.isoformat()}).json()["duties"]
    return next((row for row in rows if row["key"] == key), None)


def set_duty(client, key, **body):
    return client.put(f"/api/systems/1/care/{key}", json=body).status_code


def test_a_duty_is_set_otherwise_left_out_and_put_back(client):
    assert care(client)["rhythm"]["every_d"] == 7
    assert set_duty(client, "glass", rhythm={"every_d": 3}) == 204
    assert (care(client)["rhythm"]["every_d"], care(client)["usual"]["every_d"]) == (3, 7)
    assert set_duty(client, "glass", off=True) == 204
    assert care(client)["off"]
    assert "glass" not in lines(client, day=TODAY + timedelta(days=30))
    assert set_duty(client, "glass") == 204
    assert (care(client)["usual"], care(client)["off"]) == (None, False)


def test_a_duty_of_ones_own_comes_and_is_written_down(client):
    set_duty(client, "own.leaves", rhythm={"weekdays": ["Sat"]}, words="Turn the leaves")
    assert lines(client)["own.leaves"]["words"]["terms"]["words"]["value"] == "Turn the leaves"
    keep(client, tick("own.leaves"))
    assert log_of(client)[-1]["entry"]["note"] == "Turn the leaves"
    set_duty(client, "own.leaves")
    assert care(client, key="own.leaves") is None


def test_the_walk_goes_in_the_order_that_was_drawn(client):
    usual = [stop["system_id"] for stop in round_on(client)["stops"]]
    assert usual == sorted(usual)
    assert client.put("/api/round/order", json={"systems": [6, 3]}).status_code == 204
    assert [stop["system_id"] for stop in round_on(client)["stops"]][:3] == [6, 3, 1]
    assert client.put("/api/round/order", json={"systems": [99]}).status_code == 404


def test_two_helpers_of_one_name_are_refused_and_nobody_is_lost(client):
    two = [{"name": "Ida", "weekdays": ["Mon"]}, {"name": " ida "}]
    answer = client.put("/api/round/helpers", json={"helpers": two})
    assert (answer.status_code, answer.json()["code"]) == (422, "same_name")
    assert len(round_on(client)["helpers"]) == 6


def test_a_fortnight_away(client):
    span = {"first": "2027-01-01", "last": "2027-01-14"}
    sheet = client.get("/api/round/away", params=span).json()
    assert len(sheet["visits"]) == 7  # grow-outs go two days without food
    hall = sheet["systems"][0]
    assert "change" in [errand["key"] for errand in hall["before"]]
    assert set(hall["stand_in"][0]["days"]) <= set(sheet["visits"])
    for wrong in ({"first": "2027-01-14", "last": "2027-01-01"}, {"first": "2027-01-01", "last": "2027-06-01"}):
        assert client.get("/api/round/away", params=wrong).json()["code"] == "no_such_holiday"


def calendar(client, who="everybody", form="ics", **params):
    return client.get(f"/api/round/calendar/{who}.{form}", params={"zone": "Europe/Berlin", **params})


def test_an_evening_begins_at_its_hour_on_both_sides_of_a_change_of_clocks(client):
    # In Berlin clocks go forward in the night to 28 March 2027.
    events = list(Calendar.from_ical(calendar(client, "Tove", today="2027-03-20").content).walk("VEVENT"))
    begins = {}
    for event in events:
        start = event.decoded("dtstart")
        begins[start.date()] = min(begins.get(start.date(), start), start)
    assert {day.weekday() for day in begins} == {3, 6}  # Thursdays and Sundays
    before, after = begins[date(2027, 3, 25)], begins[date(2027, 3, 28)]
    assert (before.hour, before.utcoffset()) == (18, timedelta(hours=1))
    assert (after.hour, after.utcoffset()) == (18, timedelta(hours=2))


def test_a_helper_with_a_slash_in_the_name_has_a_calendar_that_begins_at_the_hour(client):
    """18.999 h is 18:59.94, which a clock shows as 19:00; 23.999 h is still that day."""
    rows = [{"name": "Ada / Ben", "weekdays": [], "hour": 18.999}, {"name": "Cy", "weekdays": [], "hour": 23.999}]
    assert client.put("/api/round/helpers", json={"helpers": rows}).status_code == 204
    for name, hour, minute in (("Ada%20%2F%20Ben", 19, 0), ("Cy", 23, 59)):
        answer = calendar(client, name, today="2027-01-04")
        assert answer.status_code == 200
        first = min(event.decoded("dtstart") for event in Calendar.from_ical(answer.content).walk("VEVENT"))
        assert (first.hour, first.minute) == (hour, minute)


def test_events_keep_their_identity_and_follow_one_another(client):
    first, second = calendar(client, today="2027-01-04"), calendar(client, today="2027-01-04")
    events = [Calendar.from_ical(answer.content).walk("VEVENT") for answer in (first, second)]
    assert [str(row["uid"]) for row in events[0]] == [str(row["uid"]) for row in events[1]]
    assert len({str(row["uid"]) for row in events[0]}) == len(events[0])
    # The first evening has all that is late, and runs past midnight.
    one_day = [row for row in events[0] if row.decoded("dtstart").date() == date(2027, 1, 6)]
    assert len(one_day) > 3
    for before, after in itertools.pairwise(one_day):
        assert before.decoded("dtend") == after.decoded("dtstart")
    assert first.headers["content-type"].startswith("text/calendar")


def test_the_table_has_a_line_a_task_and_none_that_a_spreadsheet_runs(client):
    set_duty(client, "own.sum", rhythm={"weekdays": ["Sat"]}, words="=1+1")
    rows = list(csv.DictReader(io.StringIO(calendar(client, form="csv", today=SATURDAY.isoformat()).text)))
    changes = [row for row in rows if row["system"] == "Long Hall" and row["what"].startswith("Change 185 L")]
    assert [row["day"] for row in changes][:2] == [SATURDAY.isoformat(), (SATURDAY + timedelta(days=7)).isoformat()]
    assert {row["what"] for row in rows if "1+1" in row["what"]} == {"'=1+1"}


@pytest.mark.parametrize(
    ("path", "code"),
    [
        ("/api/round?today=2026-13-40", "invalid"),
        ("/api/round?today=2026-11-28&zone=Mars/Olympus", "no_such_zone"),
        ("/api/round/calendar/Nobody.ics", "no_such_helper"),
        ("/api/systems/99/care?today=2026-11-28", "no_such_system"),
    ],
)
def test_what_can_not_be_is_said(client, path, code):
    assert client.get(path).json()["code"] == code


def test_a_system_that_can_not_be_read_wants_nothing_and_hides_no_other(client, database):
    from sqlalchemy import text

    with database.writing() as session:
        session.execute(text("UPDATE revision SET plan = '{' WHERE system_id = 2"))
    assert [stop["system_id"] for stop in round_on(client)["stops"]] == [1, 3, 4, 5, 6, 8, 10, 12]


def supplies(client, **params):
    return client.get("/api/round/supplies", params={"today": TODAY.isoformat(), **params}).json()


def supply(client, key):
    return next(row for row in supplies(client)["supplies"] if row["use"]["key"] == key)


def test_what_is_used_up_is_counted_ordered_and_forgotten(client):
    row = supply(client, "conditioner")
    a_day = row["use"]["a_week"] / 7
    # A litre, counted nineteen days ago in the demo.
    assert row["left"] == pytest.approx(max(0.0, 1000 - 19 * a_day), abs=0.01)
    assert row["runs_out"] == (TODAY + timedelta(days=int(1000 / a_day) - 19)).isoformat()
    body = {"amount": 10 * a_day + 0.001, "counted": TODAY.isoformat(), "lead_d": 12}
    assert client.put("/api/round/supplies/conditioner", json=body).status_code == 204
    row = supply(client, "conditioner")
    assert row["late"]
    assert row["order_by"] == (TODAY - timedelta(days=2)).isoformat()
    assert "should have been ordered" in supplies(client)["result"]["text"]
    client.put("/api/round/supplies/conditioner", json={"amount": None, "counted": TODAY.isoformat()})
    assert supply(client, "conditioner")["runs_out"] is None
    wrong = {"amount": -1, "counted": TODAY.isoformat()}
    assert client.put("/api/round/supplies/conditioner", json=wrong).status_code == 422


def test_spares_follow_the_policy(client):
    def kept(one_for):
        return {row["label"]: row["keep"] for row in supplies(client, one_for=one_for)["spares"]}

    few, many = kept(1), kept(50)
    assert few["Heater, 300 W"] == 2
    assert many["Heater, 300 W"] == 1
