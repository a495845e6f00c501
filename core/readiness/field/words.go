package field

import "allcoats/core/base/say"

// Words puts a check that is not kept in words: "humidity is above 85 %".
func Words(c Check) say.Sentence {
	below := func(what string) say.Sentence {
		return say.Sentence{say.Text("%s below ", what), say.Val(c.Need, c.Unit)}
	}
	above := func(what string) say.Sentence {
		return say.Sentence{say.Text("%s above ", what), say.Val(c.Need, c.Unit)}
	}
	switch c.Limit {
	case AirMin:
		return below("the air is")
	case AirMax:
		return above("the air is")
	case SurfaceMin:
		return below("the surface is")
	case SurfaceMax:
		return above("the surface is")
	case Humidity:
		return above("humidity is")
	case Spread:
		return say.Sentence{say.Text("the surface is less than "), say.Val(c.Need, c.Unit), say.Text(" above the dew point")}
	case Polygon:
		return say.Sentence{say.Text("temperature and humidity are outside the product's field")}
	case Rain:
		return say.Sentence{say.Text("it rains")}
	case Wind:
		return above("the wind is")
	case Light:
		return say.Sentence{say.Text("it is dark")}
	case Hours:
		return say.Sentence{say.Text("nobody works")}
	case Wetness:
		return say.Sentence{say.Text("the surface is wet")}
	}
	return say.Sentence{say.Text("the weather is not known")}
}
