"""How a drawing and a map are given out."""

from __future__ import annotations

from finegap.core.drawing.labels import RING_PX, Screen
from finegap.core.drawing.marks import Mark, Point
from finegap.core.drawn import Drawn, Number, Placed
from finegap.core.formatting import Amount, Kind, length
from finegap.core.gap.map import TableMap
from finegap.sheets import drawn as responses


def drawing_response(of: Drawn, screen: Screen) -> responses.DrawingResponse:
    """A pump as it is drawn on a screen."""
    return responses.DrawingResponse(
        of.width,
        of.height,
        screen.named,
        RING_PX,
        _px(of.words_px),
        _px(of.row_px),
        [_view(view) for view in of.views],
        [_number(number) for number in of.numbers],
    )


def nothing_drawn(screen: Screen) -> responses.DrawingResponse:
    """A screen without a drawing."""
    return responses.DrawingResponse(screen.width, screen.height, screen.named, RING_PX, 0, 0, [], [])


def _view(view: Placed) -> responses.ViewResponse:
    return responses.ViewResponse(view.name, _px(view.x), _px(view.y), round(view.scale, 4), [_mark(mark) for mark in view.marks])


def _mark(mark: Mark) -> responses.DrawnMarkResponse:
    return responses.DrawnMarkResponse(mark.style.value, mark.path, mark.of)


def _number(of: Number) -> responses.NumberResponse:
    return responses.NumberResponse(
        key=of.key,
        number=of.number,
        name=of.name,
        x=_px(of.x),
        y=_px(of.y),
        right=of.right,
        text_x=_px(of.text_x),
        port=_point(of.port),
        spot=_point(of.spot),
        stations=[responses.PlaceResponse(key, *_point(point)) for key, point in of.stations.items()],
        faces=list(of.faces),
        mate=of.mate,
        set_as=of.set_as,
    )


def _point(point: Point) -> list[float]:
    return [_px(point[0]), _px(point[1])]


def _px(value: float) -> float:
    """To a hundredth: finer than any screen shows."""
    return round(value, 2)


def map_response(drawn: TableMap) -> responses.MapResponse:
    """A clearance table as a map."""
    return responses.MapResponse(
        mm2_s=list(drawn.viscosity_mm2_s),
        c=list(drawn.temperature_c),
        regions=[
            responses.RegionResponse(
                setting=region.row.setting,
                clearance=length(region.row.clearance_mm),
                mm2_s=list(region.viscosity_mm2_s),
                c=list(region.temperature_c),
                open_mm2_s=list(region.open_viscosity),
                open_c=list(region.open_temperature),
                matches=region.matches,
                chosen=region.chosen,
            )
            for region in drawn.regions
        ],
        duty=list(drawn.duty or ()),
        way=[list(point) for point in drawn.way],
        mm2_s_ticks=[responses.AxisTickResponse(v, f"{v:g}") for v in drawn.decades],
        c_ticks=[responses.AxisTickResponse(t, Amount(t, Kind.TEMPERATURE)) for t in drawn.temperatures],
    )
