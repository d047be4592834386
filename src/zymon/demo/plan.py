"""The Wheelhouse itself: its name, its people, its places, as data."""

from dataclasses import dataclass

from zymon.standins.chamber import SimulatedChamber

WORKSHOP = "The Wheelhouse"
TIME_ZONE = "Europe/London"
PEOPLE = ("Odile", "Berrow")
SEED = 1789
DAY = 86_400.0


@dataclass(frozen=True)
class DemoPlace:
    """A place of the demo; outages as days before now and hours."""

    name: str
    kind: str
    hooks_per_rod: tuple[int, ...]
    chamber: SimulatedChamber
    hook_spacing_mm: float | None = None
    outage: tuple[float, float] | None = None


PLACES = (
    DemoPlace("Salt Fridge", "salt", (), SimulatedChamber(3.0, 78, band_c=0.6, weather_share=0.01)),
    DemoPlace("Warm Cupboard", "warm", (), SimulatedChamber(24.5, 89, band_c=0.5, weather_share=0.02)),
    DemoPlace(
        "Wheel Pit",
        "chamber",
        (10, 10, 10, 10),
        SimulatedChamber(13.0, 78, weather_share=0.04),
        130,
        outage=(16.4, 9.0),
    ),
    DemoPlace(
        "Mill Loft",
        "chamber",
        (6, 6),
        SimulatedChamber(12.0, 74, band_rh=3.5, weather_share=0.18, drift_rh_per_year=5.0),
        160,
    ),
    DemoPlace("Stone Store", "store", (), SimulatedChamber(3.9, 74, band_c=0.4, weather_share=0.02)),
)
