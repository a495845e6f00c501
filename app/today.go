package app

import (
	"context"

	"allcoats/core/base/fielderr"
	"allcoats/core/catalog/product"
	"allcoats/core/conditions/field"
	"allcoats/core/conditions/readiness"
	"allcoats/core/film/film"
	"allcoats/core/film/step"
)

// Today is the answer of the morning for one boat.
type Today struct {
	Boat   Boat             `json:"boat"`
	Place  Place            `json:"place"`
	Ribbon Ribbon           `json:"ribbon"`
	Answer readiness.Answer `json:"answer"`
}

// Today answers for a boat at the program's time.
func (a *App) Today(ctx context.Context, boatID string) (Today, error) {
	o, err := a.look(ctx, boatID)
	if err != nil {
		return Today{}, err
	}
	if err := a.plan(ctx, &o); err != nil {
		return Today{}, err
	}
	found := readiness.Find(o.s)
	for i, l := range found.Lanes {
		if l.Mix == nil {
			continue
		}
		for _, step := range o.steps[l.SurfaceID] {
			if step.ID != l.NextStepID {
				continue
			}
			share := o.products[step.ProductID].BaseShare()
			if shelf, noted := onShelf(o.shelf, step.ProductID, share); noted {
				litres := shelf.Mixed(share)
				found.Lanes[i].Mix.ShelfL = &litres
			}
		}
	}
	return Today{o.survey.Boat, o.survey.Place, o.ribbon(found.SurfaceID), found}, nil
}

// graded is a product with the hardener that is planned for it on a surface.
func (o boatState) graded(surfaceID, productID string) product.Sheet {
	sheet := o.products[productID]
	for _, st := range o.steps[surfaceID] {
		if st.ProductID == productID {
			sheet, _ = sheet.With(st.Grade)
			break
		}
	}
	return sheet
}

// fieldJob is that of a product on the surface asked for: the next coat there if it is of that product. Without a
// surface a square metre in the open is meant.
func (o boatState) fieldJob(sheet product.Sheet, ask VerdictQuery) (field.Job, readiness.Surface, error) {
	f := readiness.Surface{AreaM2: 1, Weather: field.Weather{Air: o.s.Air, SurfaceC: make([]float64, len(o.s.Air))}}
	for i, h := range o.s.Air {
		f.Weather.SurfaceC[i] = h.TempC
	}
	for _, s := range o.s.Surfaces {
		if s.ID == ask.SurfaceID {
			f = s
		}
	}
	method := ask.Method
	switch {
	case method != "":
	case f.Next != nil && f.Next.ProductID == ask.ProductID:
		method = f.Next.Method
	case len(sheet.Methods) > 0:
		method = sheet.Methods[0]
	default:
		method = "roller"
	}
	if _, ok := film.MethodByKey(method); !ok {
		return field.Job{}, readiness.Surface{}, fielderr.At("method", "is not a way to lay a coat")
	}
	coat := readiness.Coat{Step: step.Step{Work: step.Coat, Sheet: sheet, Method: method,
		DFTUm: max(1, sheet.Film.TypicalUm)}, AreaM2: f.AreaM2}
	if coat.LayH, _ = o.reckoned(f, coat.Step); f.Next != nil && f.Next.ProductID == ask.ProductID &&
		f.Next.Method == method {
		coat = *f.Next
	}
	return o.s.JobFor(coat, f), f, nil
}
