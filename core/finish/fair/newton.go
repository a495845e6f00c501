package fair

import (
	"context"
	"sync"

	"allcoats/core/base/parallel"

	"gonum.org/v1/gonum/blas/blas64"
	"gonum.org/v1/gonum/lapack/lapack64"
	"gonum.org/v1/gonum/mat"
)

// newton solves for the steps of one problem. While few points are held it factors Q once, and holds
// them by the forces that keep them where they are; each costs a solve, the first time.
type newton struct {
	p     *problem
	whole func() (factor blas64.TriangularBand, ok bool) // of Q with nothing held
	moves map[int][]float64                              // what a unit force on a point moves
}

func (p *problem) newton() *newton {
	whole := func() (blas64.TriangularBand, bool) { return lapack64.Pbtrf(p.matrix(make([]bool, len(p.diag)))) }
	return &newton{p, sync.OnceValues(whole), map[int][]float64{}}
}

// few is how many points are held by forces, as a part of the band: more are taken out of Q.
const few = 0.5

// step sets d to the Newton step from a place with gradient g with the held points kept, and tells
// whether rounding has left the matrix definite.
func (s *newton) step(d, g []float64, held []bool) bool {
	var points []int
	down := func() {
		points = points[:0]
		for i, h := range held {
			if d[i] = -g[i]; h {
				d[i] = 0
				points = append(points, i)
			}
		}
	}
	down()
	if float64(len(points)) <= few*float64(s.p.band()) {
		if factor, ok := s.whole(); ok {
			solve(factor, d)
			if s.hold(d, points, factor) {
				return true
			}
			down()
		}
	}
	factor, ok := lapack64.Pbtrf(s.p.matrix(held))
	if ok {
		solve(factor, d)
	}
	return ok
}

// hold adds to a step the forces that keep points where they are, and tells whether they are to be had.
func (s *newton) hold(d []float64, points []int, whole blas64.TriangularBand) bool {
	n := len(points)
	if n == 0 {
		return true
	}
	var asked [][]float64
	for _, i := range points {
		if s.moves[i] == nil {
			s.moves[i] = make([]float64, len(d))
			s.moves[i][i] = 1
			asked = append(asked, s.moves[i])
		}
	}
	_ = parallel.Each(context.Background(), len(asked), nil, func(_, k int) { solve(whole, asked[k]) }) // none ends it
	give, moved := mat.NewSymDense(n, nil), mat.NewVecDense(n, nil)
	for a, i := range points {
		for b, j := range points[:a+1] {
			give.SetSym(b, a, s.moves[i][j])
		}
		moved.SetVec(a, d[i])
	}
	var factor mat.Cholesky
	var forces mat.VecDense
	if !factor.Factorize(give) || factor.SolveVecTo(&forces, moved) != nil {
		return false
	}
	for a, i := range points {
		blas64.Axpy(-forces.AtVec(a), blas64.Vector{N: len(d), Data: s.moves[i], Inc: 1},
			blas64.Vector{N: len(d), Data: d, Inc: 1})
	}
	for _, i := range points {
		d[i] = 0 // but for rounding it is
	}
	return true
}

// solve puts the solution for a right side in its place, along the rows of the factor; Dtbsv goes point by point.
func solve(u blas64.TriangularBand, b []float64) {
	row := func(i int) (at float64, rest, below blas64.Vector) {
		k := min(u.K, len(b)-1-i)
		r := u.Data[i*u.Stride : i*u.Stride+k+1]
		return r[0], blas64.Vector{N: k, Data: r[1:], Inc: 1}, blas64.Vector{N: k, Data: b[i+1:], Inc: 1}
	}
	for i := range b { // Uᵀy = b
		if b[i] != 0 {
			at, rest, below := row(i)
			b[i] /= at
			blas64.Axpy(-b[i], rest, below)
		}
	}
	for i := len(b) - 1; i >= 0; i-- { // Ux = y
		at, rest, below := row(i)
		b[i] = (b[i] - blas64.Dot(rest, below)) / at
	}
}
