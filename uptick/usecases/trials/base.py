"""What every act on a trial begins with: the trial that was seen, and the settings that it is tried on."""

from uptick.core.rules.settings import Settings
from uptick.core.trial.record import Trial
from uptick.usecases.ports import Shop
from uptick.usecases.publish import require_seen


def seen_trial(shop: Shop, number: int, version: int | None) -> Trial:
    """Return a trial at the version that somebody saw.

    Raises:
        NotFound: There is no such trial.
        Stale: Somebody has changed it since.
    """
    trial = shop.trials.get(number)
    require_seen(version, trial.version, f"Trial {number}")
    return trial


def tried_on(shop: Shop) -> Settings:
    """Return the settings that shoppers get today beside a trial: the newest release's, else the draft's."""
    newest = shop.releases.newest()
    return (newest.settings if newest else shop.drafts.read().settings).on_day(shop.today)
