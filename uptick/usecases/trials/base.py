"""What every act on a trial begins with: the trial that was seen, and the settings that it is tried on."""

from uptick.core.rules.settings import Settings
from uptick.core.trial.record import Trial
from uptick.usecases.ports import Shop
from uptick.usecases.publish import require_seen


def seen_trial(shop: Shop, number: int, version: int | None) -> Trial:
    trial = shop.trials.get(number)
    require_seen(version, trial.version, f"Trial {number}")
    return trial


def tried_on(shop: Shop) -> Settings:
    newest = shop.releases.newest()
    return (newest.settings if newest else shop.drafts.read().settings).on_day(shop.today)
