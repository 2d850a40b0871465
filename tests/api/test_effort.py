"""How long each spell was really fished."""

import uuid
from datetime import UTC, datetime, timedelta

from django.contrib.auth.models import User
from django.test import TestCase

from stillthread.outings.effort import bin_step_m, live_spells, spell_end, stretches
from stillthread.outings.models import Event, Outing, Spell
from stillthread.waters.models import Water

TEN = datetime(2026, 5, 14, 10, tzinfo=UTC)


class Effort(TestCase):
    def setUp(self):
        self.user = User.objects.create_user("angler")
        self.water = Water.objects.create(owner=self.user, name="Mere", max_depth_m=8)
        self.outing = Outing.objects.create(owner=self.user, water=self.water, started_at=TEN)

    def spell(self, start=0, end=None, depth=1.0):
        return Spell.objects.create(
            owner=self.user,
            outing=self.outing,
            method="sinking",
            title="x",
            pace="static",
            depth_m=depth,
            started_at=TEN + timedelta(minutes=start),
            ended_at=None if end is None else TEN + timedelta(minutes=end),
        )

    def event(self, spell, kind, minute):
        return Event.objects.create(
            owner=self.user, spell=spell, kind=kind, occurred_at=TEN + timedelta(minutes=minute)
        )

    def hours(self):
        return [round(s.hours * 60) for s in stretches(Outing.objects.get(pk=self.outing.pk))]

    def test_as_noted(self):
        self.spell(0, 30)
        self.spell(40, 60)
        self.assertEqual(self.hours(), [30, 20])

    def test_an_open_one_ends_where_the_next_begins(self):
        self.spell(0)
        self.spell(45, 60)
        self.assertEqual(self.hours(), [45, 15])

    def test_the_last_ends_with_the_outing(self):
        self.outing.ended_at = TEN + timedelta(minutes=50)
        self.outing.save()
        self.spell(20)
        self.assertEqual(self.hours(), [30])

    def test_a_running_one_counts_to_its_last_event(self):
        spell = self.spell(0)
        self.assertEqual(self.hours(), [0])
        self.event(spell, "pluck", 12)
        self.event(spell, "blank", 25)
        self.assertEqual(self.hours(), [25])

    def test_an_end_before_the_start_is_no_effort(self):
        spell = self.spell(30)
        self.assertEqual(spell_end(spell, TEN, None), spell.started_at)

    def test_what_counts_as_a_take(self):
        spell = self.spell(0, 60)
        for minute, kind in enumerate(("lost", "landed", "take", "pluck", "follow", "weed", "bottom", "blank")):
            self.event(spell, kind, 5 + minute)
        found = stretches(Outing.objects.get(pk=self.outing.pk))[0]
        self.assertEqual((found.takes, found.landed), (3, 1))

    def test_a_take_and_the_fish_on_the_end_of_it_are_one(self):
        spell = self.spell(0, 60)
        for minute, kind in ((5, "take"), (8, "landed"), (20, "take"), (21, "lost"), (40, "take"), (56, "landed")):
            self.event(spell, kind, minute)
        found = stretches(Outing.objects.get(pk=self.outing.pk))[0]
        # The last fish was landed sixteen minutes after that take: nobody plays one so long, they are two.
        self.assertEqual((found.takes, found.landed), (4, 2))

    def test_what_is_deleted_does_not_count(self):
        gone = self.spell(0, 60)
        gone.deleted_at = TEN
        gone.save()
        kept = self.spell(60, 90)
        event = self.event(kept, "take", 70)
        event.deleted_at = TEN
        event.save()
        found = stretches(Outing.objects.get(pk=self.outing.pk))
        self.assertEqual([(round(s.hours * 60), s.takes) for s in found], [(30, 0)])

    def test_spells_come_in_time_whatever_order_they_arrived(self):
        late, early = self.spell(60, 70), self.spell(0, 10)
        self.assertEqual(live_spells(self.outing), [early, late])

    def test_steps_of_the_table(self):
        # One metre, or three feet of 0.3048 m.
        self.assertEqual(bin_step_m("m"), 1.0)
        self.assertAlmostEqual(bin_step_m("ft"), 0.9144)

    def test_rows_know_their_owner_and_their_id(self):
        spell_id = uuid.uuid4()
        row = Spell(pk=spell_id, owner=self.user, outing=self.outing, title="t", started_at=TEN)
        row.save()
        self.assertEqual(Spell.objects.get(pk=spell_id).owner, self.user)
        self.assertEqual(str(row), "t")
