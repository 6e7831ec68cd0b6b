"""Pulling a reading from the receiver: well, down, slow, sending rubbish, sending inches."""

import random
import socket
import statistics
import subprocess
import sys
import threading
import time
from unittest import mock

from django.conf import settings
from django.test import SimpleTestCase, override_settings

from finegap.api.errors import Refused
from finegap.inventory import receiver, stand_in
from finegap.inventory.receiver import Place, pull
from tests.apps.test_durability import free_port

GAUGE = {"bias": 0.004, "repeatability": 0.002, "resolution": 0.001}
SIZES = {"H-1": {"idler_bore": {"front/12–6": 30.05}}}
HERE = Place("H-1", "idler_bore", "front/12–6")


class Receiver(SimpleTestCase):
    def play(self, mood="well"):
        server = stand_in.Receiver(0, stand_in.Played({"B-1": GAUGE}, SIZES, mood, random.Random(5)))
        thread = threading.Thread(target=server.serve_forever, kwargs={"poll_interval": 0.01})
        thread.start()
        self.addCleanup(thread.join)
        self.addCleanup(server.server_close)
        self.addCleanup(server.shutdown)
        return override_settings(RECEIVER_PORT=server.port)

    def test_a_reading_has_step_scatter_and_bias_of_the_gauge_it_plays(self):
        with self.play():
            read = [pull("B-1", HERE).typed for _ in range(400)]
        sizes = [float(text.removesuffix(" mm")) for text in read]
        self.assertTrue(all(len(text.split(" ")[0].split(".")[1]) == 3 for text in read))
        # 400 readings: the mean to 0.002/√400, the scatter to 0.002/√800, each three times over
        self.assertAlmostEqual(statistics.mean(sizes), 30.054, delta=0.0003)
        self.assertAlmostEqual(statistics.stdev(sizes), 0.002, delta=0.0003)

    def test_inches_are_taken_as_inches_and_said(self):
        with self.play("inches"):
            pulled = pull("B-1", HERE)
        self.assertRegex(pulled.typed, r"^1\.183\d+ in$")
        self.assertIn("came in inches", pulled.note)

    def test_rubbish_is_shown_as_what_it_is(self):
        with self.play("rubbish"), self.assertRaisesRegex(Refused, "no reading") as caught:
            pull("B-1", HERE)
        self.assertIn("··ERR??", caught.exception.reasons[0])

    def test_slow_is_given_up(self):
        with self.play("slow"), mock.patch.object(receiver, "_PATIENCE_S", 0.2), mock.patch.object(stand_in, "SLOW_S", 0.5):
            begun = time.monotonic()
            with self.assertRaisesRegex(Refused, "too long"):
                pull("B-1", HERE)
        self.assertLess(time.monotonic() - begun, 2)

    def test_a_letter_at_a_time_is_given_up_too(self):
        with socket.create_server(("127.0.0.1", 0)) as server:

            def drip():
                link, _ = server.accept()
                with link:
                    for _ in range(20):
                        try:
                            link.sendall(b"O")
                        except OSError:
                            return
                        time.sleep(0.1)

            thread = threading.Thread(target=drip)
            thread.start()
            port = override_settings(RECEIVER_PORT=server.getsockname()[1])
            with port, mock.patch.object(receiver, "_PATIENCE_S", 0.3), self.assertRaisesRegex(Refused, "too long"):
                pull("B-1", HERE)
            thread.join()

    def test_down_unknown_gauge_and_nothing_there(self):
        with override_settings(RECEIVER_PORT=free_port()), self.assertRaisesRegex(Refused, "does not answer"):
            pull("B-1", HERE)
        with self.play():
            for tag, place in (("Z-9", HERE), ("B-1", Place("H 2", "idler_bore", "front/12–6"))):
                with self.assertRaisesRegex(Refused, "has nothing from"):
                    pull(tag, place)

    def test_a_number_without_a_unit_or_of_another_gauge_is_no_reading(self):
        for line in ("OK B-1 30.05", "OK B-2 30.05 mm", "OK B-1 30 bar", "OK", "", "30.05 mm"):
            with mock.patch.object(receiver, "_ask", return_value=line), self.assertRaisesRegex(Refused, "no reading"):
                pull("B-1", HERE)

    def test_nothing_in_a_name_makes_a_second_line(self):
        place = Place("P 1", "idler_bore\nREAD", "front/loaded\r\n side")
        self.assertEqual(place.words, "P_1 idler_boreREAD front/loaded side")

    def test_the_demos_own_stand_in_knows_each_station_of_its_job(self):
        played = stand_in.read_sizes((settings.BASE_DIR / "demo/true-sizes.json").read_text())
        from finegap.core.families import FAMILIES

        family = FAMILIES["internal_gear"]
        for pump in ("P-207", "P-112"):
            for feature, at in played.sizes[pump].items():
                self.assertEqual(set(at), {s.key for s in family.by_key[feature].stations}, feature)
        self.assertIn("NO expected READ", played.answer("HELLO"))

    def test_the_process_ends_with_whoever_started_it(self):
        port = free_port()
        sizes = str(settings.BASE_DIR / "demo/true-sizes.json")
        starts = (
            "import subprocess, sys, time; subprocess.Popen([sys.executable, '-m', 'finegap.inventory.stand_in', '--port', "
            f"'{port}', '--sizes', {sizes!r}]); time.sleep(30)"
        )
        parent = subprocess.Popen([sys.executable, "-c", starts], cwd=settings.BASE_DIR)
        self.addCleanup(parent.wait)
        self.addCleanup(parent.kill)
        self.assertTrue(self.listening(port, True))
        parent.kill()
        parent.wait()
        self.assertTrue(self.listening(port, False))

    def listening(self, port, wanted):
        for _ in range(100):
            with socket.socket() as probe:
                if (probe.connect_ex(("127.0.0.1", port)) == 0) == wanted:
                    return True
            time.sleep(0.1)
        return False
