import pytest

from uptick.core.errors import OutOfRange
from uptick.core.shop.local_shops import LocalShops


def test_only_what_is_named_may_be_a_shop_on_this_machine() -> None:
    local = LocalShops.parse("localhost:8802, *.localhost:9300-9399")
    assert local.allow("localhost", 8802)
    assert local.allow("Hedgerow.LOCALHOST", 9350)
    for host, port in (("localhost", 5432), ("localhost", 9300), ("a.localhost", 9400), ("127.0.0.1", 8802)):
        assert not local.allow(host, port)
    assert not LocalShops.parse("").allow("localhost", 80)
    assert LocalShops.at("http://127.0.0.1:8801").allow("127.0.0.1", 8801)
    assert LocalShops.at("https://edge.test").allow("edge.test", 443)


@pytest.mark.parametrize("text", ["localhost", "localhost:0", "localhost:9-8", "a b:80", "localhost:99999", "*"])
def test_a_list_that_cannot_be_read_says_so(text: str) -> None:
    with pytest.raises(OutOfRange, match="UPTICK_LOCAL_SHOPS"):
        LocalShops.parse(text)
