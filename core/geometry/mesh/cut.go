package mesh

// Cut cuts a face into triangles: ears off its outline as seen along its normal, so that a
// hollow face is covered once. What is left when no ear is found, of a face that crosses
// itself, goes as a fan.
func Cut(v []Vec, face []int32) [][3]int32 {
	out := make([][3]int32, 0, len(face)-2)
	rest := append([]int32{}, face...)
	normal := Vec{}
	for i := 2; i < len(face); i++ { // Newell
		n := v[face[i-1]].sub(v[face[0]]).cross(v[face[i]].sub(v[face[0]]))
		normal = Vec{normal[0] + n[0], normal[1] + n[1], normal[2] + n[2]}
	}
	turn := func(a, b, c int32) float64 { return v[b].sub(v[a]).cross(v[c].sub(v[b])).dot(normal) }
	ear := func(i int) bool {
		n := len(rest)
		a, b, c := rest[(i+n-1)%n], rest[i], rest[(i+1)%n]
		if turn(a, b, c) <= 0 {
			return false
		}
		for _, p := range rest {
			if p != a && p != b && p != c && turn(a, b, p) >= 0 && turn(b, c, p) >= 0 && turn(c, a, p) >= 0 {
				return false
			}
		}
		return true
	}
	for len(rest) > 3 {
		found := false
		for i := range rest {
			if ear(i) {
				n := len(rest)
				out = append(out, [3]int32{rest[(i+n-1)%n], rest[i], rest[(i+1)%n]})
				rest = append(rest[:i], rest[i+1:]...)
				found = true
				break
			}
		}
		if !found {
			break
		}
	}
	for i := 2; i < len(rest); i++ {
		out = append(out, [3]int32{rest[0], rest[i-1], rest[i]})
	}
	return out
}
