"""Every error that the job's rules can raise.

AppError
├── OutOfRange        a number or value outside what is allowed
├── BadDocument       settings that do not make a button
├── BadColour         text that names no colour
├── BadReach          a reach that names nothing that exists
├── BadWording        a text with an unknown live value
├── BadTexts          a file of texts that cannot be read at all
├── BadPicture        a file that is no picture we can serve
├── BadIcon           an SVG that cannot be made into an icon
├── BadCss            CSS in which no button can be found
├── BadTokens         a file of design tokens that cannot be read at all
├── BadCatalogue      a catalogue file that cannot be read at all
├── NeedsYes          a step with consequences that somebody has to agree to first
├── BadSignal         a batch of signals that cannot be read at all
├── NotFound          a thing that is not there
├── Stale             somebody changed it meanwhile
├── Overtaken         a step that cannot be taken back, since others changed the same
├── NothingToUndo     the history has no step in that direction
├── NothingToRelease  the draft equals the newest release
├── FindingsLeft      a release with findings that must be fixed
├── TrialUnderway     a change would touch a button under trial
├── TrialState        a step that the trial's state does not allow
├── TooFewData        too little to compute from
├── NotSignedIn       nobody is signed in
├── WrongPassword     sign-in failed
├── NotSetUp          something that running needs is missing
└── SlowDown          too many tries
"""

from typing import Any


class AppError(Exception):
    """Carries a stable `code`, a sentence for people and `facts` for programs."""

    code = "error"

    def __init__(self, says: str, **facts: Any) -> None:
        super().__init__(says)
        self.says = says
        self.facts = facts


class OutOfRange(AppError):
    code = "out_of_range"

    @classmethod
    def of(cls, field: str, allowed: str, value: object) -> "OutOfRange":
        """Return the error for a field: what is allowed, and what was given."""
        return cls(f"{field} must be {allowed}; it is {value}.", field=field, allowed=allowed, value=str(value))


class BadDocument(AppError):
    code = "bad_document"


class BadColour(AppError):
    code = "bad_colour"


class BadReach(AppError):
    code = "bad_reach"


class BadSelector(AppError):
    code = "bad_selector"


class BadWording(AppError):
    code = "bad_wording"


class BadTexts(AppError):
    code = "bad_texts"


class BadPicture(AppError):
    code = "bad_picture"


class BadIcon(AppError):
    code = "bad_icon"


class BadCss(AppError):
    code = "bad_css"


class BadTokens(AppError):
    code = "bad_tokens"


class BadCatalogue(AppError):
    code = "bad_catalogue"


class NeedsYes(AppError):
    code = "needs_yes"


class BadSignal(AppError):
    code = "bad_signal"


class NotFound(AppError):
    code = "not_found"


class Stale(AppError):
    code = "stale"


class Overtaken(AppError):
    code = "overtaken"


class NothingToUndo(AppError):
    code = "nothing_to_undo"


class NothingToRelease(AppError):
    code = "nothing_to_release"


class FindingsLeft(AppError):
    code = "findings_left"


class TrialUnderway(AppError):
    code = "trial_underway"


class WrongTrialState(AppError):
    code = "trial_state"


class TooFewData(AppError):
    code = "too_few_data"


class NotSignedIn(AppError):
    code = "not_signed_in"


class WrongPassword(AppError):
    code = "wrong_password"


class NotSetUp(AppError):
    code = "not_set_up"


class SlowDown(AppError):
    code = "slow_down"
