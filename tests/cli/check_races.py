"""The judge of the thread sanitizer's reports: a race of the project's is told, one within packages is not."""
import pathlib
import subprocess
import sys
import tempfile

root = pathlib.Path(sys.argv[1])
servant = "    #0 operator new(unsigned long) libsanitizer/tsan_new_delete.cpp:64 (libtsan.so.2+0x87323)\n"
toolkit = "    #1 <null> <null> (libQt6Gui.so.6+0x533fed)\n"
ours = "    #1 skarvel::PlanService::take_latest() src/app/window/plan_service.cpp:95 (skarvel+0xad9c56)\n"
inline = "    #0 std::string::size() const /usr/include/c++/12/bits/basic_string.h:1064 (skarvel+0xad9c57)\n"


def report(first, second, place=""):
    return (
        "WARNING: ThreadSanitizer: data race (pid=1)\n  Read of size 8 at 0x7b by main thread:\n" + first
        + "\n  Previous write of size 8 at 0x7b by thread T2:\n" + second + "\n" + place
        + "SUMMARY: ThreadSanitizer: data race\n==================\n"
    )


def told(*reports):
    with tempfile.TemporaryDirectory() as folder:
        log = pathlib.Path(folder) / "races.1"
        log.write_text("".join(reports))
        return subprocess.run([root / "scripts/own-races", log], capture_output=True, text=True).returncode


envelope = (
    "  Location is heap block of size 32 at 0x7b allocated by thread T2:\n" + servant
    + "    #1 bool QMetaObject::invokeMethod<void>(void*) qobjectdefs.h:275 (skarvel+0x1)\n\n"
)
within_toolkit = report(servant + toolkit, servant + toolkit)
assert told() == 0
assert told(within_toolkit) == 0, "what packages do with their own memory is theirs"
assert told(report(inline + ours, servant + ours, envelope)) == 0, "the envelope of a call is the toolkit's"
assert told(within_toolkit, report(inline + ours, servant + ours)) == 1
assert told(report(inline + ours, servant + toolkit)) == 1, "one side is enough"
assert told(report(servant + ours, servant + ours)) == 1, "memory is asked for on behalf of the project"
assert told("WARNING: ThreadSanitizer: lock-order-inversion (potential deadlock)\n" + ours) == 1
print("told: a race of the project's; passed over: what packages do with their own")
