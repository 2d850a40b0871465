"""The listener against the boat in another process: live values, faults, cut sentences, kills, reconnections."""

import socket
import threading
import time
import uuid

from stillthread.formats.nmea import sentence
from stillthread.standins.lake import CENTRE, temperature_c
from stillthread.waters.feed import Feed, Feeds
from tests.standins.base import StandinCase


class FeedCase(StandinCase):
    def listen(self, port, **more):
        feed = Feed("127.0.0.1", port, **more)
        self.addCleanup(feed.stop)
        return feed


class Live(FeedCase):
    def test_live_values_from_a_boat_with_faults(self):
        boat = self.start("sounder", "--speed", "50")
        feed = self.listen(boat.port)
        self.until(lambda: feed.snapshot().good > 300 and feed.snapshot().bad > 3)
        live = feed.snapshot()
        self.assertEqual(live.state, "live")
        self.assertTrue(0.3 < live.depth_m < 40)
        self.assertAlmostEqual(live.fix.position[0], CENTRE[0], delta=0.01)
        self.assertAlmostEqual(live.fix.position[1], CENTRE[1], delta=0.01)
        self.assertTrue(live.wind_true)
        self.assertTrue(2 < live.wind[0] < 8)
        self.assertTrue(190 < live.wind[1] < 280)
        self.assertTrue(live.last_bad)

    def test_a_profile_by_letting_the_thermometer_down(self):
        boat = self.start("sounder", "--steady", "--speed", "50")
        feed = self.listen(boat.port)
        day = time.gmtime().tm_yday
        for depth in (0.0, 5.0, 9.0):
            boat.lower(depth)
            wanted = temperature_c(depth, day)
            self.until(
                lambda wanted=wanted: feed.snapshot().steady and abs(feed.snapshot().temperature_c - wanted) < 0.25
            )

    def test_a_recorded_line_has_places_and_depths(self):
        boat = self.start("sounder", "--speed", "50")
        feed = self.listen(boat.port)
        line = uuid.uuid4()
        feed.start_line(line)
        self.until(lambda: feed.waiting > 60)
        feed.pause()
        points = feed.drain()
        self.assertEqual((feed.line, feed.waiting), (line, 0))
        times = [p.when for p in points]
        self.assertEqual(times, sorted(times))
        self.assertTrue(all(0 < p.depth_m < 40 for p in points))
        self.assertGreater(len({p.position for p in points}), 30)

    def test_a_transducer_that_does_not_say_how_deep_it_hangs(self):
        with Mouth([sentence("SDDBT,13.1,f,4.00,M,2.19,F")]) as mouth:
            feed = self.listen(mouth.port, transducer_m=0.4)
            self.until(lambda: feed.snapshot().depth_m is not None)
            self.assertAlmostEqual(feed.snapshot().depth_m, 4.4)

    def test_without_a_position_the_wind_is_only_as_felt(self):
        with Mouth([sentence("HEHDT,90.0,T"), sentence("WIMWV,45.0,R,4.0,M,A")]) as mouth:
            feed = self.listen(mouth.port)
            self.until(lambda: feed.snapshot().wind is not None)
            live = feed.snapshot()
            self.assertEqual((live.wind, live.wind_true), ((4.0, 135.0), False))


class Mouth:
    """A socket that says given lines to everyone who connects, then does what it is told to do."""

    def __init__(self, lines, then="wait", raw=b""):
        self.data = raw or "".join(f"{line}\r\n" for line in lines).encode()
        self.then = then
        self.server = socket.create_server(("127.0.0.1", 0))
        self.port = self.server.getsockname()[1]
        self.calls = 0
        self.ended = threading.Event()
        threading.Thread(target=self.run, daemon=True).start()

    def run(self):
        while not self.ended.is_set():
            try:
                line, _ = self.server.accept()
            except OSError:
                return
            self.calls += 1
            with line:
                try:
                    line.sendall(self.data)
                    if self.then == "wait":
                        self.ended.wait(10)
                except OSError:
                    continue

    def __enter__(self):
        return self

    def __exit__(self, *_):
        self.ended.set()
        self.server.close()


class Losses(FeedCase):
    def test_killed_in_the_middle_and_started_again_on_the_same_port(self):
        boat = self.start("sounder", "--speed", "50")
        port = boat.port
        feed = self.listen(port)
        self.until(lambda: feed.snapshot().good > 30)
        boat.kill()
        self.until(lambda: feed.snapshot().state == "lost")
        before = feed.snapshot()
        self.assertIsNotNone(before.depth_m)  # the last value stays, and grows old
        self.start("sounder", "--speed", "50", port=port)
        self.until(lambda: feed.snapshot().state == "live" and feed.snapshot().connections >= 2)
        self.until(lambda: feed.snapshot().good > before.good + 20)

    def test_a_feed_that_is_cut_in_mid_sentence_again_and_again(self):
        boat = self.start("sounder", "--speed", "50", "--steady", "--cut-after", "0.3")
        feed = self.listen(boat.port)
        self.until(lambda: feed.snapshot().connections >= 3 and feed.snapshot().good > 40)
        live = feed.snapshot()
        self.assertEqual(live.last_bad, "cut off in the middle")
        # Half a depth is never taken for a depth.
        self.assertTrue(0.3 < live.depth_m < 40)

    def test_half_a_depth_is_no_depth(self):
        whole = sentence("SDDPT,12.50,0.3,100.0")
        with Mouth([], then="close", raw=whole[:11].encode()) as mouth:  # $SDDPT,12.5
            feed = self.listen(mouth.port)
            self.until(lambda: mouth.calls >= 2)
            self.assertIsNone(feed.snapshot().depth_m)
            self.assertGreaterEqual(feed.snapshot().bad, 1)

    def test_nobody_listening_there(self):
        free = socket.create_server(("127.0.0.1", 0))
        port = free.getsockname()[1]
        free.close()
        feed = self.listen(port)
        self.until(lambda: feed.snapshot().state == "refused")
        boat = self.start("sounder", "--speed", "50", port=port)
        self.until(lambda: feed.snapshot().state == "live")
        self.assertEqual(boat.port, port)

    def test_garbage_without_end(self):
        with Mouth([], raw=bytes(range(256)) * 400) as mouth:
            feed = self.listen(mouth.port)
            self.until(lambda: feed.snapshot().bad > 10)
            live = feed.snapshot()
            self.assertEqual((live.depth_m, live.good), (None, 0))

    def test_stopping_ends_the_thread_at_once(self):
        boat = self.start("sounder")
        feed = Feed("127.0.0.1", boat.port)
        self.until(lambda: feed.snapshot().state != "connecting")
        feed.stop()
        self.assertFalse(feed.running)
        self.assertEqual(feed.snapshot().state, "stopped")

    def test_nobody_asks_and_it_lets_go(self):
        clock = [0.0]
        with Mouth([sentence("YXMTW,12.4,C")], then="close") as mouth:
            feed = Feed("127.0.0.1", mouth.port, clock=lambda: clock[0])
            self.until(lambda: feed.live.good > 0)
            clock[0] = 10_000.0
            self.until(lambda: not feed.running)

    def test_one_feed_for_each_angler(self):
        boat = self.start("sounder")
        feeds = Feeds()
        first = feeds.start(1, "127.0.0.1", boat.port, 0.0)
        second = feeds.start(1, "127.0.0.1", boat.port, 0.0)
        other = feeds.start(2, "127.0.0.1", boat.port, 0.0)
        self.assertFalse(first.running)
        self.assertIs(feeds.of(1), second)
        self.assertIs(feeds.of(2), other)
        feeds.stop(1)
        feeds.stop(2)
        self.assertIsNone(feeds.of(1))
