from jobs.tests.world import WorldTestCase


class QueryCounts(WorldTestCase):
    """Session and person take two queries of each count."""

    def setUp(self) -> None:
        self.sign_in()

    def counted(self, expected: int, path: str) -> None:
        with self.assertNumQueries(expected):
            self.get(path)


class CatalogueQueries(QueryCounts):
    def test_lists_take_a_fixed_number_of_queries(self) -> None:
        self.counted(4, "boards?size=100")
        self.counted(5, "boards/marked?text=TVH-2210-B")
        self.counted(4, "families")
        self.counted(4, "makers")
